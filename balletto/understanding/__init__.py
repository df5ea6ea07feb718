"""Understanding: what people say in words of their own, in our wording. Tables of ways of speaking
(`tables/*.txt`) and a few general ways to tell values; what is understood is said back, and read by
`sentences`."""
