"""What a batch came to: the sheet, its parts, the strip, trials, scale error, derivations."""
