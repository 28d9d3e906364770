-- Holds, strays, desks and the programs that work for people.

-- A check-out in force. At most one open hold a line.
create table if not exists hold (
  id bigint not null auto_increment primary key,
  item bigint not null,
  line bigint not null,
  person bigint not null,
  desk varchar(100) not null default '',
  purpose varchar(200) not null default '',
  base_version bigint null,
  at datetime(6) not null,
  open_mark smallint null check (open_mark = 1),
  ended_at datetime(6) null,
  ended_how varchar(12) character set ascii collate ascii_bin null,
  ended_by bigint null,
  ended_why varchar(500) null,
  constraint hold_open unique (line, open_mark),
  constraint hold_open_or_ended check ((open_mark is null) = (ended_at is not null)),
  constraint hold_ended_how check (ended_how is null or ended_how in ('CHECKED_IN','UNDONE','BROKEN','REVIEW','DROPPED')),
  key hold_person (person, open_mark),
  key hold_item (item, at),
  constraint hold_line foreign key (line, item) references line (id, item),
  constraint hold_person foreign key (person) references person (id),
  constraint hold_ended_by foreign key (ended_by) references person (id),
  constraint hold_base foreign key (base_version) references version (id)
);

-- Content that came back without a valid hold: kept beside the document.
create table if not exists stray (
  id bigint not null auto_increment primary key,
  item bigint not null,
  line bigint not null,
  content bigint not null,
  file_name varchar(200) not null,
  base_version bigint null,
  author bigint not null,
  at datetime(6) not null,
  comment text not null,
  refusal_code varchar(60) character set ascii collate ascii_bin not null,
  refusal varchar(500) not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  decided_by bigint null,
  decided_at datetime(6) null,
  adopted_version bigint null,
  constraint stray_state check (state in ('KEPT','SAVED','ADOPTED','DROPPED')),
  key stray_item (item, state),
  constraint stray_line foreign key (line, item) references line (id, item),
  constraint stray_content foreign key (content) references content (id),
  constraint stray_base foreign key (base_version) references version (id),
  constraint stray_author foreign key (author) references person (id),
  constraint stray_decided_by foreign key (decided_by) references person (id),
  constraint stray_adopted foreign key (adopted_version) references version (id)
);

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

-- What was brought to a desk: the version and its place; unchanged bytes are told by the version's content.
create table if not exists desk_file (
  desk bigint not null,
  item bigint not null,
  version bigint not null,
  path varchar(1000) not null,
  on_purpose tinyint(1) not null default 0,
  at datetime(6) not null,
  primary key (desk, item),
  constraint desk_file_desk foreign key (desk) references desk (id) on delete cascade,
  constraint desk_file_version foreign key (version, item) references version (id, item)
);

-- A code by which a program is paired with a person's desk, once.
create table if not exists pairing (
  hash binary(32) not null primary key,
  person bigint not null,
  expires_at datetime(6) not null,
  used_at datetime(6) null,
  constraint pairing_person foreign key (person) references person (id)
);
