"""The demo: the marina, its stories and pictures, told through the use cases."""
