#version 400 core
// Divides a patch by what its edges measure on the screen, where its relief stands out there.
layout(vertices = 3) out;
in vec3 c_position[];
in vec3 c_normal[];
in vec3 c_uvw[];
in vec3 c_lift[];
out vec3 e_position[];
out vec3 e_normal[];
out vec3 e_uvw[];
out vec3 e_lift[];
patch out float front;
uniform mat4 view_projection;
uniform vec3 eye;
uniform vec2 relief_m;
uniform float focal;       // pixels of a metre, a metre away
uniform float grain;       // pixels of an edge
uniform bool backing;      // the lowest level, undivided, behind what gapes

float stands_out(vec3 p) { return (relief_m.y - relief_m.x) * focal / max(distance(p, eye), 0.02); }

// By the edge alone, whichever triangle asks: neighbours stay joined.
float pieces(vec3 p, vec3 q) {
    vec3 middle = 0.5 * (p + q);
    if (max(stands_out(middle), max(stands_out(p), stands_out(q))) < 2.0) return 1.0;
    float away = min(distance(middle, eye), min(distance(p, eye), distance(q, eye)));
    return clamp(ceil(distance(p, q) * focal / max(away, 0.05) / grain), 1.0, 64.0);
}

// As finely as its edges in both ways: of a long thin one, only its edges are divided.
float within(vec3 p, vec3 q, vec3 r, float most) {
    float longest = max(distance(p, q), max(distance(q, r), distance(r, p)));
    return clamp(ceil(1.15 * most * length(cross(q - p, r - p)) / max(longest * longest, 1e-12)), 1.0, most);
}

// All corners beyond one side of the view, with room for what is lifted.
bool unseen() {
    float room = 3.0 * max(abs(relief_m.x), abs(relief_m.y)) * focal / 200.0;
    vec4 p[3];
    for (int k = 0; k < 3; ++k) p[k] = view_projection * vec4(c_position[k], 1.0);
    for (int axis = 0; axis < 2; ++axis) {
        if (p[0][axis] > p[0].w + room && p[1][axis] > p[1].w + room && p[2][axis] > p[2].w + room) return true;
        if (p[0][axis] < -p[0].w - room && p[1][axis] < -p[1].w - room && p[2][axis] < -p[2].w - room) return true;
    }
    return p[0].w < -room && p[1].w < -room && p[2].w < -room;
}

void main() {
    e_position[gl_InvocationID] = c_position[gl_InvocationID];
    e_normal[gl_InvocationID] = c_normal[gl_InvocationID];
    e_uvw[gl_InvocationID] = c_uvw[gl_InvocationID];
    e_lift[gl_InvocationID] = c_lift[gl_InvocationID];
    if (gl_InvocationID == 0) {
        vec3 face = cross(c_position[1] - c_position[0], c_position[2] - c_position[0]);
        front = dot(face, eye - c_position[0]) >= 0.0 ? 1.0 : -1.0;
        vec3 levels = vec3(1.0);
        if (unseen()) levels = vec3(0.0);
        else if (!backing) levels = vec3(
            pieces(c_position[1], c_position[2]), pieces(c_position[2], c_position[0]), pieces(c_position[0], c_position[1])
        );
        gl_TessLevelOuter[0] = levels.x;
        gl_TessLevelOuter[1] = levels.y;
        gl_TessLevelOuter[2] = levels.z;
        gl_TessLevelInner[0] = within(
            c_position[0], c_position[1], c_position[2], max(levels.x, max(levels.y, levels.z))
        );
    }
}
