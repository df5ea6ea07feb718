"""What is heard in files: their samples, how loud they are over time, where their beats are."""
