"""People, crews and sign-in."""
