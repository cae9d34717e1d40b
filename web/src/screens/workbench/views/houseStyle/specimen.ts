/** A page with everything on it that a house style shapes, before it is styled. Its links lead nowhere. */
export const specimen = `
<hr>
<h2>A heading of the page</h2>
<p>Words as they stand on most pages, with <a href="#">a link</a> and <strong>strong ones</strong>.</p>
<div class="house-note"><p><strong>Take care.</strong></p><p>A note, with <a href="#">a link</a> on its ground.</p></div>
<h3>A smaller heading</h3>
<ul class="house-route">
<li class="house-stop"><strong class="house-number">1</strong> <a href="#">The first place</a>: where the route begins</li>
<li class="house-last-stop"><strong class="house-number">2</strong> <a href="#">The second place</a></li>
</ul>
<div class="house-card"><h3>A card</h3><p>Who teaches, with <a href="#">an address</a>.</p></div>
<table><thead><tr><th scope="col">Module</th><th scope="col">Dates</th></tr></thead><tbody><tr><th scope="row">Week 1</th><td>the first</td></tr><tr><th scope="row">Week 2</th><td>the second</td></tr></tbody></table>
<blockquote><p>Something quoted.</p></blockquote>`
