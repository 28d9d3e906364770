-- A named value that documents record: its type and its rules.
create table if not exists fact (
  id bigint not null auto_increment primary key,
  name varchar(60) not null,
  name_key varchar(60) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  label varchar(80) not null,
  type varchar(10) character set ascii collate ascii_bin not null,
  unit varchar(20) not null default '',
  pattern varchar(200) not null default '',
  choices json null,
  constraint fact_name unique (name_key),
  constraint fact_type check (type in ('TEXT','NUMBER','DATE','YES_NO','CHOICE','PERSON','DOCUMENT'))
);
