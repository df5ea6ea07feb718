"""The library: files that people send, looked into, kept, and offered."""
