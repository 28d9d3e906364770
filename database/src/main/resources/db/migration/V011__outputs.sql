-- What the shelf makes of versions, and what goes out by mail.

-- The proof of a stamp version: what was signed, what was written, with which map and values.
create table if not exists stamp (
  version bigint not null primary key,
  signed_version bigint not null,
  sheet_map bigint not null,
  signed_hash binary(32) not null,
  stamped_hash binary(32) not null,
  fact_values json not null,
  block_rows json null,
  edits json not null,
  constraint stamp_version foreign key (version) references version (id),
  constraint stamp_signed foreign key (signed_version) references version (id),
  constraint stamp_map foreign key (sheet_map) references sheet_map (id)
);

-- What a run makes of a released version: once for each format and recipe.
create table if not exists output (
  version bigint not null,
  format varchar(10) character set ascii collate ascii_bin not null,
  recipe varchar(20) character set ascii collate ascii_bin not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  content bigint null,
  says varchar(300) not null default '',
  tries int not null default 0,
  asked_at datetime(6) not null,
  made_at datetime(6) null,
  lease_until datetime(6) null,
  primary key (version, format, recipe),
  key output_state (state, lease_until),
  constraint output_state_known check (state in ('WAITING','MADE','FAILED')),
  constraint output_made check ((state = 'MADE') = (content is not null)),
  constraint output_version foreign key (version) references version (id),
  constraint output_content foreign key (content) references content (id)
);

-- What happened and is to be told outside: written with the act, taken from here by whatever node.
create table if not exists outbox_event (
  id bigint not null auto_increment primary key,
  at datetime(6) not null,
  code varchar(40) character set ascii collate ascii_bin not null,
  round bigint null,
  item bigint null,
  by_person bigint null,
  says varchar(1000) not null,
  to_page varchar(200) not null default '',
  constraint outbox_event_round foreign key (round) references round (id),
  constraint outbox_event_item foreign key (item) references item (id),
  constraint outbox_event_by foreign key (by_person) references person (id)
);

-- One event on its way to one receiver: sent at least once, with the same identification each time.
create table if not exists delivery (
  id bigint not null auto_increment primary key,
  event bigint not null,
  channel varchar(10) character set ascii collate ascii_bin not null,
  receiver bigint not null,
  ask bigint null,
  encloses varchar(8) character set ascii collate ascii_bin not null default 'LINK',
  state varchar(10) character set ascii collate ascii_bin not null,
  tries int not null default 0,
  next_at datetime(6) not null,
  lease_until datetime(6) null,
  sent_at datetime(6) null,
  says varchar(300) not null default '',
  constraint delivery_once unique (event, channel, receiver),
  constraint delivery_encloses check (encloses in ('LINK','PDF','DXF','STEP','FILE')),
  constraint delivery_state check (state in ('WAITING','SENT','NEEDLESS','FAILED')),
  key delivery_next (state, next_at),
  key delivery_ask (ask),
  constraint delivery_event foreign key (event) references outbox_event (id),
  constraint delivery_receiver foreign key (receiver) references person (id),
  constraint delivery_ask foreign key (ask) references ask (id)
);

-- The key and certificate with which PDFs are sealed, where a house has set none of its own: made once, one for all nodes.
create table if not exists house_seal (
  id tinyint not null primary key,
  pkcs12 varbinary(12000) not null,
  made_at datetime(6) not null,
  constraint house_seal_one check (id = 1)
);

-- What was packed for somebody: a structure in exact versions, so that it can be packed again and what comes back is known.
create table if not exists sent_pack (
  id bigint not null auto_increment primary key,
  person bigint not null,
  at datetime(6) not null,
  item bigint not null,
  version int not null,
  shown varchar(40) character set ascii collate ascii_bin not null,
  layout varchar(10) character set ascii collate ascii_bin not null,
  pages boolean not null,
  neutral boolean not null,
  receiver varchar(200) not null,
  purpose varchar(500) not null,
  key sent_pack_person (person, id),
  key sent_pack_item (item, id),
  constraint sent_pack_person foreign key (person) references person (id),
  constraint sent_pack_item foreign key (item) references item (id)
);

create table if not exists sent_pack_row (
  pack bigint not null,
  position int not null,
  item bigint not null,
  version int not null,
  path varchar(1000) not null,
  primary key (pack, position),
  key sent_pack_row_item (item, pack),
  constraint sent_pack_row_pack foreign key (pack) references sent_pack (id) on delete cascade,
  constraint sent_pack_row_item foreign key (item) references item (id)
);
