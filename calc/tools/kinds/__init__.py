"""Kinds of tool, a file each: what stands on the shelf and how it is known there."""
