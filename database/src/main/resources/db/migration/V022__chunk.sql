-- A piece of content, stored once.
create table if not exists chunk (
  id bigint not null auto_increment primary key,
  hash binary(32) not null,
  length int not null,
  codec varchar(8) character set ascii collate ascii_bin not null,
  bytes mediumblob not null,
  constraint chunk_hash unique (hash)
);
