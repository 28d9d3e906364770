-- An act that was done, by the key that its form carried: the same form posted twice is answered alike.
create table if not exists act (
  person bigint not null,
  act_key char(36) character set ascii collate ascii_bin not null,
  result varchar(500) not null,
  at datetime(6) not null,
  primary key (person, act_key),
  key act_at (at),
  constraint act_person foreign key (person) references person (id)
);
