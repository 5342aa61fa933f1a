"""The answer of a use in sentences: which filter, at what price, how sure, and what speaks against it.

`words`         numbers of a filter in words, prices
`asked`         what a use asks, as a sentence
`seen`          hazards and cautions that were seen on a filter
`dirt`          what passes of a thousand particles, and how it is known
`standing`      who may be named: groups of one part, their order, the chance to be first
`known_use`     a use judged, with everything an answer is written from
`decision`      the sentences that carry the decision
`compared`      what a buyer trades: particles passed, litres unfiltered, price
`left_out`      what the analyst left out and a buyer would want to know
`adapter`       what the engine's adapter costs, where no filter is ranked
`answer`        the sentences around the decision, and their length: `answer_use`
"""
