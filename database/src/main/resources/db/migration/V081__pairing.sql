-- A code by which a program is paired with a person's desk, once.
create table if not exists pairing (
  hash binary(32) not null primary key,
  person bigint not null,
  expires_at datetime(6) not null,
  used_at datetime(6) null,
  constraint pairing_person foreign key (person) references person (id)
);
