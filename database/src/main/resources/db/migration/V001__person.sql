-- A person. People are never deleted: they leave, and their contact data is blanked.
create table if not exists person (
  id bigint not null auto_increment primary key,
  login varchar(100) not null,
  login_key varchar(100) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  name varchar(200) not null,
  password_hash varchar(200) null,
  mail varchar(254) not null default '',
  telephone varchar(60) not null default '',
  note varchar(300) not null default '',
  zone varchar(60) not null default 'UTC',
  away_until date null,
  stands_in bigint null,
  left_at datetime(6) null,
  created_at datetime(6) not null,
  constraint person_login unique (login_key),
  constraint person_stands_in foreign key (stands_in) references person (id)
);
