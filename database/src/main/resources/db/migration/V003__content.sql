-- The bytes of files.

-- The bytes of a file, by hash. A receiving content is seen by nobody.
create table if not exists content (
  id bigint not null auto_increment primary key,
  sha256 binary(32) null,
  size bigint not null default 0,
  state varchar(10) character set ascii collate ascii_bin not null,
  sealed_mark smallint null check (sealed_mark = 1),
  cut varchar(10) character set ascii collate ascii_bin not null default '',
  content_kind varchar(20) character set ascii collate ascii_bin not null default '',
  created_at datetime(6) not null,
  constraint content_sealed unique (sha256, sealed_mark),
  constraint content_state check (state in ('RECEIVING','SEALED')),
  constraint content_sealed_has_hash check ((state = 'SEALED') = (sealed_mark is not null and sha256 is not null)),
  key content_state_created (state, created_at)
);

-- Pieces of contents, about a megabyte of them packed as one. The sum is the CRC-32C of the plain bytes.
create table if not exists pack (
  id bigint not null auto_increment primary key,
  length int not null,
  codec varchar(8) character set ascii collate ascii_bin not null,
  sum int not null,
  bytes mediumblob not null
);

-- Where a piece lies, by its key: finds what is here already. Only a saving: what a content is, its stretches say.
create table if not exists piece (
  piece_key binary(16) not null primary key,
  pack bigint not null,
  start_at int not null,
  length int not null,
  key piece_pack (pack),
  constraint piece_pack foreign key (pack) references pack (id) on delete cascade
);

-- The stretches of packs that a content consists of, in their order.
create table if not exists content_stretch (
  content bigint not null,
  seq int not null,
  pack bigint not null,
  pack_at int not null,
  start_at bigint not null,
  length int not null,
  primary key (content, seq),
  key content_stretch_pack (pack),
  constraint content_stretch_content foreign key (content) references content (id),
  constraint content_stretch_pack foreign key (pack) references pack (id)
);

-- The seed of the keys, the house's own: nobody outside makes pieces whose keys meet.
create table if not exists piece_seed (
  id smallint not null primary key check (id = 1),
  seed bigint not null
);
insert ignore into piece_seed (id, seed) values (1, conv(hex(random_bytes(7)), 16, 10));

-- Bytes on their way in; resumed by its token.
create table if not exists upload (
  id bigint not null auto_increment primary key,
  token char(36) character set ascii collate ascii_bin not null,
  person bigint not null,
  content bigint null,
  file_name varchar(300) not null,
  size bigint not null,
  received bigint not null default 0,
  sha256 binary(32) null,
  content_kind varchar(20) character set ascii collate ascii_bin not null default '',
  state varchar(10) character set ascii collate ascii_bin not null,
  aside tinyint(1) not null default 0,
  created_at datetime(6) not null,
  lease_until datetime(6) not null,
  constraint upload_token unique (token),
  constraint upload_state check (state in ('RECEIVING','COMPLETE','USED','DROPPED')),
  key upload_of_person (person, aside, state, size),
  key upload_lease (state, lease_until),
  constraint upload_person foreign key (person) references person (id),
  constraint upload_content foreign key (content) references content (id)
);

-- What a content says in words, a line each, and the traits of its sheet: what the search looks through. Made by a run, once for each content.
create table if not exists content_text (
  content bigint not null primary key,
  words mediumtext not null,
  traits varchar(2000) character set ascii collate ascii_bin not null default '',
  tail bigint not null auto_increment,
  key content_text_tail (tail),
  constraint content_text_content foreign key (content) references content (id) on delete cascade
);
