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
