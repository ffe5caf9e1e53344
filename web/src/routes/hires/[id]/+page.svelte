<!-- Nobody stays here: the layout leads to the record. -->
