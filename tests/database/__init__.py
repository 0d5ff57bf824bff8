"""Connections to the database."""
