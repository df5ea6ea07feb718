"""The workbench: the page on which scenes are made. `view_model` puts together what it shows,
`sentences` say it, `edits` make what is asked for."""
