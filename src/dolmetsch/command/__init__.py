"""The one command. Standard library only: it works before anything is installed."""
