"""The picture: from a scene and a time to pixels. `frame` draws one, `incremental_renderer` one
after another; the folders hold what they are made of, from outlines and looks to canvases."""
