-- Files that refer to a name look it up on every shelf.
create index if not exists item_by_file_name on item (file_name_key);
