-- Lists by title walk along it.
create index if not exists item_title on item (shelf, title, id);
