"""What leaves the shop on paper."""
