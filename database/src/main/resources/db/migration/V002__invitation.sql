-- A link that lets a person set a password. Only the hash of the token is kept.
create table if not exists invitation (
  token_hash binary(32) not null primary key,
  person bigint not null,
  expires_at datetime(6) not null,
  used_at datetime(6) null,
  constraint invitation_person foreign key (person) references person (id)
);
