-- A group of people; groups may stand wherever a person may.
create table if not exists person_group (
  id bigint not null auto_increment primary key,
  name varchar(100) not null,
  name_key varchar(100) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  constraint person_group_name unique (name_key)
);
