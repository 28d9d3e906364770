-- A map that is out of use reads and writes no more sheets; proofs go on naming its editions.
alter table sheet_map add column if not exists in_use boolean not null default true;
