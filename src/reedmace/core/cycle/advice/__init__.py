"""What to do today: actions, first aid, routine, the headline, and the days with animals in."""
