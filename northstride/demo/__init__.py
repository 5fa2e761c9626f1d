"""The made-up club Tarnholt: mountain orienteering and skiing. Nobody and nothing in it is real."""
