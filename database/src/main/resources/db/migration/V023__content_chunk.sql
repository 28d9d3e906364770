-- The pieces of a content in their order.
create table if not exists content_chunk (
  content bigint not null,
  seq int not null,
  chunk bigint not null,
  start_at bigint not null,
  length int not null,
  primary key (content, seq),
  key content_chunk_chunk (chunk),
  constraint content_chunk_content foreign key (content) references content (id),
  constraint content_chunk_chunk foreign key (chunk) references chunk (id)
);
