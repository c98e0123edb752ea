"""Parts of the station Winding."""
