-- What of a document is out of the house: the title that was released last, and when anything of it that a reader sees moved.
alter table item
  add column if not exists out_title varchar(200) null,
  add column if not exists out_at datetime(6) null,
  add index if not exists item_out_at (shelf, out_at, id),
  add index if not exists item_out_title (shelf, out_title, id);
