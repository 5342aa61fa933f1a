"""Small simulated stand-ins for devices and services outside; they import nothing of what works their data out.

`counter`   a particle counter on a filter test stand: `simulated_counts`, `write_csv`
"""
