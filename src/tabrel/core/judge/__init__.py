"""Which filter for which use, and how sure: categories, the schools of ranking side by side, chances of places.

`categories`   what is compared, and who beats whom in one category: `Category`, `outcome`
`schools`      pair wins, rank sum, weighted score, each with the places it can give
`chances`      chance of each place from common draws, what would swap two places: `chance_of_place`, `swaps`
"""
