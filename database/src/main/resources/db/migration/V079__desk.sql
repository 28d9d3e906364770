-- A folder of a person on one machine.
create table if not exists desk (
  id bigint not null auto_increment primary key,
  person bigint not null,
  name varchar(100) not null,
  name_key varchar(100) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  created_at datetime(6) not null,
  seen_at datetime(6) null,
  constraint desk_name unique (person, name_key),
  constraint desk_person foreign key (person) references person (id)
);
