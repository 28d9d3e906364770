-- What a content says in words, a line each: what the search looks through. Made by a run, once for each content.
create table if not exists content_text (
  content bigint not null primary key,
  words mediumtext not null,
  fulltext key content_text_words (words),
  constraint content_text_content foreign key (content) references content (id) on delete cascade
);
