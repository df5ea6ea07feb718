"""Renders: clips that are asked for, queued, made by workers, and kept for a while."""
