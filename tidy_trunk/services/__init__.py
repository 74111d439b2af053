"""Use cases: one method for one thing that a user does. Time, ids and files enter here."""
