"""What the page asks for, made into edits of the core."""
