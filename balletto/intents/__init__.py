"""Intents: what is asked for of a scene, in words that are typed or by a button, made into edits. A
`situation` in, an edit out; nothing here knows of requests or pages."""
