#version 400 core
// Lifts a corner by the height there; the fuller, the more it stands out on the screen.
layout(triangles, equal_spacing, ccw) in;
in vec3 e_position[];
in vec3 e_normal[];
in vec3 e_uvw[];
in vec3 e_lift[];
patch in float front;
uniform mat4 view_projection;
uniform mat4 light_projection;
uniform mat4 open_projection[3];
uniform vec2 offset_m;
uniform sampler2D height_map;
uniform vec2 relief_m;
uniform vec2 repeat_m;
uniform vec3 eye;
uniform float focal;
uniform float grain;
uniform bool backing;
out vec3 position;
out vec3 normal;
out vec3 uvw;
out vec3 lifted;
out float turned;
out vec4 in_light;
#ifndef MOVING
out vec3 in_open[3];
#endif

void main() {
    vec3 c = gl_TessCoord;
    position = c.x * e_position[0] + c.y * e_position[1] + c.z * e_position[2];
    normal = c.x * e_normal[0] + c.y * e_normal[1] + c.z * e_normal[2];
    uvw = c.x * e_uvw[0] + c.y * e_uvw[1] + c.z * e_uvw[2];
    vec3 lift = c.x * e_lift[0] + c.y * e_lift[1] + c.z * e_lift[2];
    float away = max(distance(position, eye), 0.02);
    float fuller = smoothstep(2.0, 4.0, (relief_m.y - relief_m.x) * focal / away);
    vec2 texel = repeat_m / vec2(textureSize(height_map, 0));
    float fine = max(0.0, log2(0.5 * grain * away / focal / max(texel.x, texel.y)));
    float level = backing ? relief_m.x : mix(relief_m.x, relief_m.y, textureLod(height_map, uvw.xy / uvw.z, fine).r);
    lifted = position + lift * level * fuller;
    turned = backing ? front : front * (1.0 + fuller);
    vec3 n = normalize(normal);
    in_light = light_projection * vec4(position + n * offset_m.x, 1.0);
#ifndef MOVING
    for (int k = 0; k < 3; ++k) in_open[k] = (open_projection[k] * vec4(position + n * offset_m.y, 1.0)).xyz;
#endif
    gl_Position = view_projection * vec4(lifted, 1.0);
}
