"""Simulated stand-ins for outside devices. Each runs as a process of its own and is spoken to like the real one."""
