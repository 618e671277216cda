#version 330 core
// The sky behind everything.
in vec2 place;
uniform sampler2D sharp;       // octahedral, exposed
uniform mat3 ray;        // columns: right, up and forward, scaled to the picture's edges
uniform vec3 sun;
uniform vec3 sun_glow;   // radiance of its disc
uniform float sun_cos;
uniform bool even;       // hard edges of clouds would show the map's own rows
layout(location = 0) out vec4 colour;
layout(location = 1) out vec4 around;
layout(location = 2) out vec4 guide;

// The map by cubic splines, of four samples between its own (Sigg and Hadwiger 2005, "Fast third-order texture filtering").
vec3 splined(vec2 p, float side) {
    vec2 at = p * side - 0.5, base = floor(at), f = at - base, g = 1.0 - f;
    vec2 w0 = g * g * g / 6.0, w1 = (4.0 - 3.0 * f * f * (2.0 - f)) / 6.0;
    vec2 w3 = f * f * f / 6.0, w2 = 1.0 - w0 - w1 - w3;
    vec2 low = w0 + w1, high = w2 + w3;
    vec2 a = (base - 0.5 + w1 / low) / side, b = (base + 1.5 + w3 / high) / side;
    return low.y * (low.x * textureLod(sharp, a, 0.0).rgb + high.x * textureLod(sharp, vec2(b.x, a.y), 0.0).rgb)
        + high.y * (low.x * textureLod(sharp, vec2(a.x, b.y), 0.0).rgb + high.x * textureLod(sharp, b, 0.0).rgb);
}

void main() {
    vec3 way = normalize(ray * vec3(place, 1.0));
    vec3 d = way / (abs(way.x) + abs(way.y) + abs(way.z));
    vec2 p = d.z >= 0.0 ? d.xy : (1.0 - abs(d.yx)) * vec2(d.x >= 0.0 ? 1.0 : -1.0, d.y >= 0.0 ? 1.0 : -1.0);
    float side = float(textureSize(sharp, 0).x);
    p = ((p * 0.5 + 0.5) * (side - 2.0) + 1.0) / side;
    colour = vec4(even ? splined(p, side) : textureLod(sharp, p, 0.0).rgb, 1.0);
    if (dot(way, sun) > sun_cos) colour.rgb += sun_glow;
    around = vec4(0.0, 0.0, 0.0, 1.0);
    guide = vec4(0.0, 0.0, 0.0, 1e4);
}
