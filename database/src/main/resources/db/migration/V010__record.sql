-- The record, what was done and told.

-- The record: who did what to which document, when, from where and why. One chain of hashes a document, one for the house.
-- The tail numbers entries as they come, for who reads on from where they were.
create table if not exists record_entry (
  stream bigint not null,
  seq int not null,
  at datetime(6) not null,
  person bigint null,
  address varchar(60) not null,
  act varchar(60) character set ascii collate ascii_bin not null,
  item bigint null,
  version int null,
  says varchar(500) not null,
  why varchar(1000) not null,
  prev_hash binary(32) not null,
  hash binary(32) not null,
  tail bigint not null auto_increment,
  primary key (stream, seq),
  key record_entry_tail (tail),
  key record_entry_at (at),
  key record_entry_person (person, at),
  constraint record_entry_person foreign key (person) references person (id),
  constraint record_entry_item foreign key (item) references item (id)
);

-- The end of each chain, and how far it is anchored.
create table if not exists record_head (
  stream bigint not null primary key,
  seq int not null,
  hash binary(32) not null,
  anchored_seq int not null default 0
);

-- Chains the ends of all chains, so that a whole chain cannot be replaced unseen.
create table if not exists record_anchor (
  seq bigint not null primary key,
  at datetime(6) not null,
  prev_hash binary(32) not null,
  hash binary(32) not null
);

-- The ends that an anchor holds.
create table if not exists record_anchor_head (
  anchor bigint not null,
  stream bigint not null,
  seq int not null,
  hash binary(32) not null,
  primary key (anchor, stream),
  constraint record_anchor_head_anchor foreign key (anchor) references record_anchor (seq)
);

-- The record is only ever added to.
create or replace trigger record_no_change before update on record_entry for each row signal sqlstate '45000' set message_text = 'the record is append-only';

-- The record is only ever added to.
create or replace trigger record_no_delete before delete on record_entry for each row signal sqlstate '45000' set message_text = 'the record is append-only';

-- Backups that were written: when, under what name, how large.
create table if not exists backup_taken (
  id bigint not null auto_increment primary key,
  at datetime(6) not null,
  file_name varchar(200) not null,
  size bigint not null
);

-- An act that was done, by the key that its form carried: the same form posted twice is answered alike.
create table if not exists act (
  person bigint not null,
  act_key char(36) character set ascii collate ascii_bin not null,
  result text not null,
  said binary(32) null,
  at datetime(6) not null,
  primary key (person, act_key),
  key act_at (at),
  constraint act_person foreign key (person) references person (id)
);

-- What an act over a set is at or did: progress while it works, under a lease, and a report with an address afterwards.
create table if not exists run (
  id bigint not null auto_increment primary key,
  person bigint not null,
  act_key char(36) character set ascii collate ascii_bin not null,
  what varchar(20) character set ascii collate ascii_bin not null,
  says varchar(500) not null,
  wish mediumtext null,
  state varchar(12) character set ascii collate ascii_bin not null,
  done int not null,
  total int not null,
  begun_at datetime(6) not null,
  ended_at datetime(6) null,
  next_at datetime(6) not null,
  lease_until datetime(6) null,
  tries int not null default 0,
  constraint run_act unique (person, act_key),
  key run_of_person (person, begun_at, id),
  key run_to_do (state, next_at),
  key run_old (ended_at),
  constraint run_person foreign key (person) references person (id)
);

-- A row of a run: what is to become of a document, seen at that version, and what became of it.
create table if not exists run_row (
  run bigint not null,
  position int not null,
  item bigint not null,
  expected varchar(64) character set ascii collate ascii_bin not null,
  became varchar(20) character set ascii collate ascii_bin null,
  number bigint not null default 0,
  primary key (run, position),
  constraint run_row_run foreign key (run) references run (id) on delete cascade,
  constraint run_row_item foreign key (item) references item (id)
);

-- What a person opened, filed or changed last.
create table if not exists recent (
  person bigint not null,
  item bigint not null,
  why varchar(20) character set ascii collate ascii_bin not null,
  at datetime(6) not null,
  primary key (person, item),
  key recent_at (person, at),
  constraint recent_person foreign key (person) references person (id),
  constraint recent_item foreign key (item) references item (id)
);

-- What a person keeps at hand, in a sequence of their own.
create table if not exists pin (
  person bigint not null,
  kind varchar(6) character set ascii collate ascii_bin not null,
  target bigint not null,
  position int not null,
  primary key (person, kind, target),
  key pin_position (person, position),
  constraint pin_kind check (kind in ('ITEM','FOLDER','SHELF','SEARCH')),
  constraint pin_person foreign key (person) references person (id)
);

-- What people follow: a document, a folder with those below it, a shelf; and at which moments they are told.
create table if not exists follow (
  person bigint not null,
  kind varchar(6) character set ascii collate ascii_bin not null,
  target bigint not null,
  moments varchar(60) character set ascii collate ascii_bin not null,
  at datetime(6) not null,
  primary key (person, kind, target),
  key follow_target (kind, target),
  constraint follow_kind check (kind in ('ITEM','FOLDER','SHELF')),
  constraint follow_person foreign key (person) references person (id)
);

-- Searches that are kept, by who keeps them, for themselves or for a group.
create table if not exists kept_search (
  id bigint not null auto_increment primary key,
  owner bigint not null,
  person_group bigint null,
  name varchar(80) not null,
  q varchar(500) not null,
  by_order varchar(10) character set ascii collate ascii_bin not null,
  versions boolean not null,
  fact_columns varchar(200) character set ascii collate ascii_bin not null default '',
  kept_at datetime(6) not null,
  key kept_search_owner (owner, name),
  key kept_search_group (person_group, name),
  constraint kept_search_owner foreign key (owner) references person (id),
  constraint kept_search_group foreign key (person_group) references person_group (id)
);

-- When somebody looked at a kept search last, and whether they are mailed of new hits.
create table if not exists kept_search_look (
  search bigint not null,
  person bigint not null,
  looked_at datetime(6) not null,
  told boolean not null,
  told_at datetime(6) not null,
  primary key (search, person),
  key kept_search_look_told (told, told_at),
  constraint kept_search_look_search foreign key (search) references kept_search (id) on delete cascade,
  constraint kept_search_look_person foreign key (person) references person (id)
);

-- What a person is told on Today.
create table if not exists notice (
  id bigint not null auto_increment primary key,
  person bigint not null,
  at datetime(6) not null,
  code varchar(40) character set ascii collate ascii_bin not null,
  item bigint null,
  by_person bigint null,
  says varchar(500) not null,
  target varchar(200) not null,
  done_at datetime(6) null,
  key notice_person (person, done_at, at),
  constraint notice_person foreign key (person) references person (id),
  constraint notice_item foreign key (item) references item (id),
  constraint notice_by foreign key (by_person) references person (id)
);
