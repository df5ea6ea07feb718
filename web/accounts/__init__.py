"""Accounts: signing in and out, invitations, passwords."""
