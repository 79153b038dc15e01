"""The price list: dated prices of what a kitchen buys, uses and compares with."""
