"""Pictures of scenes for pages: frames and films by the content that they show."""
