-- The record: who did what to which document, when, from where and why. One chain of hashes a document, one for the house.
create table if not exists record_entry (
  stream bigint not null,
  seq int not null,
  at datetime(6) not null,
  person bigint null,
  address varchar(60) not null,
  act varchar(60) character set ascii collate ascii_bin not null,
  item bigint null,
  version int null,
  says varchar(500) not null,
  why varchar(1000) not null,
  prev_hash binary(32) not null,
  hash binary(32) not null,
  primary key (stream, seq),
  key record_entry_at (at),
  key record_entry_person (person, at),
  constraint record_entry_person foreign key (person) references person (id),
  constraint record_entry_item foreign key (item) references item (id)
);
