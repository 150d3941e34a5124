"""Trip: leak tests, what they prove, the circuit of the house."""
