-- The end of each chain, and how far it is anchored.
create table if not exists record_head (
  stream bigint not null primary key,
  seq int not null,
  hash binary(32) not null,
  anchored_seq int not null default 0
);
