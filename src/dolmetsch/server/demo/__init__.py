"""The Salt Lantern Canteen of Harrow Quay: made-up batches, entered as a cook would."""
