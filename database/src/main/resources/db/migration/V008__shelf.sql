-- A project's controlled store of documents.
create table if not exists shelf (
  id bigint not null auto_increment primary key,
  name varchar(120) not null,
  name_key varchar(120) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  note varchar(300) not null default '',
  created_at datetime(6) not null,
  constraint shelf_name unique (name_key)
);
