ALTER TABLE courses
  ADD KEY courses_with_term (id, term_code)
