"""Cut plans: what is proposed, what is reserved and taken, and each cut as it is made."""
