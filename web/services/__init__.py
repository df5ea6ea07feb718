"""Services: what starts, checks, measures and backs up the application."""
