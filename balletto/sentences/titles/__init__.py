"""Titles in words: how letters are set, said and read."""
