"""The document: a scene as a file has it, checked (`document`, `files`), what it is made of
(`model`, `kinds`), what is done to it (`edits`, `changes`, `rewriting`), and what new parts of it
start as (`starts`). Its parts have folders of their own; nothing here knows of drawing or pages."""
