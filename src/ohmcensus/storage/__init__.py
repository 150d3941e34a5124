"""Storage: tables on SQLite, one repository per aggregate, migrations.

``database``  opening the data directory, transactions, migrations
``tables``    the tables
``jobs`` ``readings`` ``notes`` ``meters`` ``settings``  repositories: rows in, core values out
"""
