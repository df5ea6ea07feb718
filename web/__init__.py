"""The application: pages, people, storage and the queue round the core."""
