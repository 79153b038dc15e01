"""What a meal plan is worked out from."""
