-- What a program of a person's signs its requests with. Only the hash is kept.
create table if not exists api_token (
  id bigint not null auto_increment primary key,
  person bigint not null,
  hash binary(32) not null,
  label varchar(100) not null,
  may_write tinyint(1) not null,
  created_at datetime(6) not null,
  expires_at datetime(6) not null,
  used_at datetime(6) null,
  revoked_at datetime(6) null,
  constraint api_token_hash unique (hash),
  key api_token_person (person, revoked_at),
  constraint api_token_person foreign key (person) references person (id)
);
