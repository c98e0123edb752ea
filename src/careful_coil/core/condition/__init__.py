"""The state of the winding: balance and insulation."""
