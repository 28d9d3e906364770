-- Readers search the titles that are out.
create fulltext index if not exists item_out_words on item (out_title, file_name);
