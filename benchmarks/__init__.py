"""What is measured: speed, a town, and what holds while parts fail."""
