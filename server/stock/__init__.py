"""A crew's scrap rack and its ledger."""
