"""Parts of the station Mechanics."""
