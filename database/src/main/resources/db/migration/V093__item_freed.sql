-- Ninety days after a document was dropped its bytes go; what it was stays known.
alter table item add column if not exists freed_at datetime(6) null;
